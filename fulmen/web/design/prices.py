"""The price list: read it, replace it, as JSON or CSV, or go back to the invented one."""

from __future__ import annotations

from flask import Response

from fulmen.core.materials.prices import PriceList, invented_prices, prices_csv, read_prices_csv
from fulmen.store.prices import forget_prices, keep_prices, price_list
from fulmen.web.design.schemas import PriceFile
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.replies import now, reply, store

prices = api_blueprint("prices")


@prices.get("/prices", responses={200: PriceList})
@allows(Role.ELECTRICIAN)
def read_prices() -> Response:
    """Read the price list that counts."""
    return reply(price_list(store()))


@prices.put("/prices", responses={200: PriceList})
@allows(Role.ELECTRICIAN)
def replace_prices(body: PriceList) -> Response:
    """Replace the price list by your own."""
    # Through the CSV's own reading, so that a repeated key is refused the same way.
    kept = read_prices_csv(prices_csv(body))
    keep_prices(store(), kept, now())
    return reply(kept)


@prices.delete("/prices", responses={200: PriceList})
@allows(Role.ELECTRICIAN)
def reset_prices() -> Response:
    """Forget your own list and go back to the invented one."""
    forget_prices(store(), now())
    return reply(invented_prices())


@prices.get("/prices.csv", responses={200: None})
@allows(Role.ELECTRICIAN)
def download_prices() -> Response:
    """Download the price list as CSV."""
    headers = {"Content-Disposition": 'attachment; filename="prices.csv"'}
    return Response(prices_csv(price_list(store())), mimetype="text/csv", headers=headers)


@prices.post("/prices/csv", responses={200: PriceList})
@allows(Role.ELECTRICIAN)
def import_prices(body: PriceFile) -> Response:
    """Replace the price list by one in CSV; every line at fault is told, and nothing is kept then."""
    kept = read_prices_csv(body.text)
    keep_prices(store(), kept, now())
    return reply(kept)
