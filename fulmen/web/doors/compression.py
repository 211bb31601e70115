"""What goes over the wire smaller: answers in JSON as they are sent, built files as they were compressed at the build.

An answer that carries a secret, of a link or of a session, is sent as it is: beside words that somebody else chose, its
length would tell of the secret.
"""

from __future__ import annotations

from flask import Flask, Response, g, session
from flask_compress import Compress

MIMETYPES = ("application/json", "application/problem+json", "image/svg+xml", "text/csv")
# Below this the saving is less than what it takes; our own, no source.
LEAST_BYTES = 1000
# How a client's encodings are served, the smallest first; the build leaves a file beside each that is worth it.
BUILT = (("br", ".br"), ("gzip", ".gz"))


def register_compression(app: Flask) -> None:
    """Compress every answer that is large and holds no secret; the version in its ETag keeps its number."""
    app.config.update(
        COMPRESS_REGISTER=False,
        # Zstandard takes a quarter of Brotli’s time for a twentieth more bytes, measured on a design page’s answer.
        COMPRESS_ALGORITHM=("zstd", "br", "gzip"),
        COMPRESS_MIMETYPES=MIMETYPES,
        COMPRESS_MIN_SIZE=LEAST_BYTES,
        COMPRESS_STREAMS=False,
        # A job's version stands while its readings grow: no answer is left out because a version is known.
        COMPRESS_EVALUATE_CONDITIONAL_REQUEST=False,
    )
    compress = Compress()
    compress.init_app(app)

    @app.after_request
    def after(response: Response) -> Response:
        if g.get("holds_secret") or session.modified:
            return response
        return compress.after_request(response)


def holds_secret() -> None:
    """Say that the answer to this request carries a secret."""
    g.holds_secret = True


def built_encodings(accepted: str) -> list[tuple[str, str]]:
    """The encodings of built files that a client takes, each with the ending of its files.

    >>> built_encodings("gzip, deflate, br"), built_encodings("gzip;q=0, *;q=0.1")
    ([('br', '.br'), ('gzip', '.gz')], [])
    """
    taken = {name.strip() for name, _, quality in (one.partition(";") for one in accepted.split(",")) if not quality}
    return [(name, ending) for name, ending in BUILT if name in taken]
