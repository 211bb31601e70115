"""Read by the type checker alone: a plain string is no rule's name, even where it is one. Each line below is refused,

or the checker says that its exemption is not needed.
"""

from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.run import BURIED_COVER
from fulmen.core.reference.rule_set import rule_set

REGISTER["depth"]  # type: ignore[index]
rule_set().rules["demand"]  # type: ignore[index]
rule_set().rule_clause("surge")  # type: ignore[arg-type]
# The register's own name is taken.
rule_set().rule_clause(BURIED_COVER.key)
