"""Photos of a job's stops: adding, listing, showing, removing."""

from __future__ import annotations

from datetime import UTC

from flask import Response, request

from fulmen.photos import make_photo
from fulmen.store import photos as store_photos
from fulmen.store.operations import load_job
from fulmen.store.tables import PhotoRow
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.guard import takes_photo
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.schemas import EntryHeader, JobPath
from fulmen.web.survey.schemas import OnePhotoPath, PhotoInfo, PhotoList, PhotoPath, PhotoPlace

photos = api_blueprint("photos")


@photos.get("/jobs/<int:job_id>/photos", responses={200: PhotoList, 404: Problem})
@allows(Role.ELECTRICIAN)
def list_photos(path: JobPath) -> Response:
    """List a job's photos, oldest first."""
    load_job(store(), path.job_id)
    return reply(PhotoList(photos=[photo_info(row) for row in store_photos.list_photos(store(), path.job_id)]))


@photos.post("/jobs/<int:job_id>/photos", responses={201: PhotoInfo, 404: Problem, 409: Problem, 413: Problem})
@allows(Role.ELECTRICIAN)
@takes_photo
def add_photo(path: JobPath, header: EntryHeader, query: PhotoPlace) -> Response:
    """Add a photo to a stop: the body is a JPEG, PNG, WebP or HEIC file."""
    place = store_photos.Place(query.stop, made_at=query.made_at and query.made_at.astimezone(UTC))
    entry = header.entry(request.get_data())
    row = store_photos.add_photo(store(), path.job_id, make_photo(request.get_data()), place, now(), entry)
    return reply(photo_info(row), 201)


@photos.delete("/jobs/<int:job_id>/photos/<int:photo_id>", responses={204: None, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def remove_photo(path: PhotoPath) -> Response:
    """Remove a photo for good, unless the job rests on it."""
    store_photos.remove_photo(store(), path.job_id, path.photo_id, now())
    return Response(status=204)


@photos.get("/photos/<int:photo_id>.jpg", responses={200: None, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def show_photo(path: OnePhotoPath) -> Response:
    """Show a photo."""
    return picture(store_photos.load_photo(store(), path.photo_id).jpeg)


@photos.get("/photos/<int:photo_id>/thumbnail.jpg", responses={200: None, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def show_thumbnail(path: OnePhotoPath) -> Response:
    """Show a photo small."""
    return picture(store_photos.load_photo(store(), path.photo_id).thumbnail)


def photo_info(row: PhotoRow) -> PhotoInfo:
    """A photo without its bytes."""
    return PhotoInfo.model_validate(row, from_attributes=True)


def picture(jpeg: bytes) -> Response:
    """A photo's bytes, which never change; only this browser may keep them."""
    return Response(jpeg, mimetype="image/jpeg", headers={"Cache-Control": "private, max-age=86400"})
