"""Every other way, judged by the same evaluation."""
