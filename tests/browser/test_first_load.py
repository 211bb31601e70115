"""What a browser that was never here fetches, as it goes over the wire: headers, scripts, fonts, the job and all."""

import unittest
from typing import Any, ClassVar

from tests.browser.chromium import BrowserCase

MOST_KB = 300


class FirstLoad(BrowserCase):
    LISTED: ClassVar[dict[str, str]] = {"the list": "/", "a survey": "/jobs/1/survey", "a design": "/jobs/1/design"}

    def loaded(self, path: str) -> dict[str, float]:
        """Kilobytes on the wire by address, until nothing is fetched any more."""
        context = self.shared.browser.new_context()
        self.addCleanup(context.close)
        page = context.new_page()
        heard = context.new_cdp_session(page)
        addresses: dict[str, str] = {}
        sizes: dict[str, float] = {}

        def asked(event: Any) -> None:
            addresses[event["requestId"]] = event["request"]["url"].removeprefix(self.url)

        def ended(event: Any) -> None:
            address = addresses.get(event["requestId"], "?")
            sizes[address] = sizes.get(address, 0) + event["encodedDataLength"] / 1000

        heard.on("Network.requestWillBeSent", asked)
        heard.on("Network.loadingFinished", ended)
        heard.send("Network.enable")
        page.goto(self.url + path)
        page.wait_for_load_state("networkidle")
        return sizes

    def test_each_page_comes_in_three_hundred_kilobytes(self) -> None:
        for what, path in self.LISTED.items():
            sizes = self.loaded(path)
            heaviest = sorted(sizes.items(), key=lambda one: -one[1])[:6]
            with self.subTest(what):
                self.assertGreater(len(sizes), 5)
                # Letters that no page of the demo has are not fetched.
                self.assertFalse([one for one in sizes if "latin-ext" in one])
                self.assertLessEqual(sum(sizes.values()), MOST_KB, heaviest)


if __name__ == "__main__":
    unittest.main()
