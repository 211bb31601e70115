"""Calls by the API's own document, a few of the thousands that `make soak` makes."""

import random

from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT
from tests.soak.calls import call_all


class Calls(AppCase):
    def test_no_failure_and_nothing_that_the_document_does_not_name(self) -> None:
        self.store(DEVICE_IN_UNIT)
        found = call_all(self.client, 600, random.Random(5))
        self.assertEqual(found.failures, [])
        self.assertEqual(dict(found.undocumented), {})
        self.assertGreater(found.statuses[200], 50)
        self.assertGreater(found.statuses[422], 50)
