"""The tests. On a machine that is full a drawn example may take seconds: that says nothing about what is tested."""

from hypothesis import HealthCheck, settings

settings.register_profile("full_machine", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("full_machine")
