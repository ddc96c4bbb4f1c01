"""Registers the app with Django."""

from django.apps import AppConfig


class DeliveriesConfig(AppConfig):
    name = "fitzle.apps.deliveries"
    label = "deliveries"
