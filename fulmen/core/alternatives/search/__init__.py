"""Every other way that works: layouts, cables, devices and protections tried against the same figures as the checks."""
