"""Mails: kept until they are sent, so that a mail server that is away delays them and loses nothing."""
