"""Cut-outs: the background made transparent. The engines and their figures: docs/decisions/0013."""
