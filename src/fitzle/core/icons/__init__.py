"""Icon sets of a site: all files that browsers, home screens and link previews ask a site for."""
