"""Lottie animations (Lottie Animation Community, specification 1.0) of moving pieces."""
