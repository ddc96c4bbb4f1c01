"""Pictures under version control: fitzle.toml read, all of it made, and only what changed written again."""
