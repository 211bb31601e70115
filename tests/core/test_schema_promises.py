"""The job file's schema keeps what its version promised: a frozen copy of each version's is held against the present one."""

import json
import unittest
from typing import Any

from fulmen.core.model.job import SCHEMA_VERSION, Job
from tests.core.test_upgrades import FROZEN


class Schema(unittest.TestCase):
    """A field that vanishes or changes needs a step, and with it the next version number and its frozen schema."""

    def test_the_present_schema_keeps_what_its_version_promised(self) -> None:
        frozen = json.loads((FROZEN / f"job-file-{SCHEMA_VERSION}.schema.json").read_text(encoding="utf-8"))
        self.assertEqual(_broken_promises(frozen, Job.model_json_schema(), ""), [])

    def test_it_would_notice(self) -> None:
        whole = Job.model_json_schema()
        for change in (
            lambda s: s["$defs"]["Board"]["properties"].pop("name"),
            lambda s: s["$defs"]["Earthing"]["enum"].pop(),
            lambda s: s["$defs"]["ChargePoint"]["required"].append("record"),
            lambda s: s["$defs"]["Board"]["properties"]["indoors"].update(default=False),
            lambda s: s["properties"]["boards"].update(maxItems=3),
        ):
            changed = json.loads(json.dumps(whole))
            change(changed)
            self.assertNotEqual(_broken_promises(whole, changed, ""), [])

    def test_what_only_lets_more_in_breaks_nothing(self) -> None:
        whole = Job.model_json_schema()
        changed = json.loads(json.dumps(whole))
        changed["properties"]["boards"].update(maxItems=30)
        changed["$defs"]["Earthing"]["enum"].append("it")
        self.assertEqual(_broken_promises(whole, changed, ""), [])


def _broken_promises(frozen: Any, present: Any, path: str) -> list[str]:
    """Where a file that the frozen schema takes might be refused, or read as something else."""
    if isinstance(frozen, dict) and isinstance(present, dict):
        broken = [f"{path}/{name} is gone" for name in frozen if name not in present]
        broken += [f"{path}/{name} is new" for name in present if name not in frozen and name in ("maximum", "minimum", "pattern", "maxLength", "maxItems", "required")]  # fmt: skip
        return broken + [
            one
            for name in frozen
            if name in present
            for one in _broken_promises(frozen[name], present[name], f"{path}/{name}")
        ]
    if path.endswith(("/description", "/title")) or frozen == present:
        return []
    if path.endswith("/enum"):
        return [] if set(frozen) <= set(present) else [f"{path} lost {set(frozen) - set(present)}"]
    if path.endswith(("/maximum", "/maxLength", "/maxItems")) and present >= frozen:
        return []
    if path.endswith("/minimum") and present <= frozen:
        return []
    if path.endswith("/required"):
        return [] if set(present) <= set(frozen) else [f"{path} asks for more"]
    if isinstance(frozen, list) and isinstance(present, list) and len(frozen) == len(present):
        return [
            one
            for at, (old, new) in enumerate(zip(frozen, present, strict=True))
            for one in _broken_promises(old, new, f"{path}/{at}")
        ]
    return [f"{path}: {frozen!r} became {present!r}"]


if __name__ == "__main__":
    unittest.main()
