"""Django: keeps the data and serves it; the rules live in fitzle.core."""
