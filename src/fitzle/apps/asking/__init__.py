"""Asking people which take they like better, by a link that shows nothing else."""
