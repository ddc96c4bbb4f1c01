"""What this version makes and judges otherwise than the one before; light, so that asking costs nothing."""

ENGINE = "11"  # raise it when rendering or encoding changes, so that kept files are made anew
RULES_VERSION = "5"  # raise it when a rule judges otherwise, so that what was judged is judged anew
