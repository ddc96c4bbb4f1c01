"""Registers the app with Django."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "fitzle.apps.accounts"
    label = "accounts"
