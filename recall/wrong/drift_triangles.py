from ovlo import drawing, ramp


@drawing(paper="linen")
def fan(nib, blades: int = 10):
    for colour in ramp("gold", "firebrick", blades):
        nib.ink = colour
        for _ in range(3):
            nib.forward(95)
            nib.left(60)  # wrong (turns-miss-360, drift): nib.left(120)
        nib.left(360 / blades)
