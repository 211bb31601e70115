"""Looking for other ways: each in a process of its own, told while it goes on, ended when nobody wants it any more."""
