"""What a piece may begin with: structures filled with a house's own colours, typefaces and artwork, arranged anew."""
