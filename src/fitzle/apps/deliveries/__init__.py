"""Deliveries: the files handed over and the record of them."""
