from ovlo import drawing


@drawing
def disc(nib, radius: float = 80, fill: str = "gold"):
    nib.circle(radius, fill="gold")  # wrong (unused-parameter): nib.circle(radius, fill=fill)
