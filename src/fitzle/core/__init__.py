"""The rules of the job and its computation: no Django, no network, no database, no clock."""
