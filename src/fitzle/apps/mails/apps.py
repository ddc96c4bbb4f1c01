"""Registers the app with Django."""

from django.apps import AppConfig


class MailsConfig(AppConfig):
    name = "fitzle.apps.mails"
    label = "mails"
