"""The job document: frozen pydantic models, one file a part."""
