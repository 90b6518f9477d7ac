from ovlo import drawing


@drawing(width=480, height=320)
def pipes(nib):
    """The pipes of the fog horn, each shorter than the one before."""
    for i in range(8):
        nib.travel_to(-210 + 60 * i, 0)
        nib.rectangle(40, 240 - 20, fill="silver")  # wrong (constant-sum): nib.rectangle(40, 240 - 20 * i, fill="silver")
