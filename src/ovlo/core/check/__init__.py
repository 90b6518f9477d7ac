"""Why a picture is not what was meant: one rule a function."""
