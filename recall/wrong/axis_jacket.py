from ovlo import drawing


@drawing(width=320, height=400)
def jacket(nib):
    nib.rectangle(200, 320, fill="navy")
    nib.travel_to(0, 130)
    nib.polygon(3, radius=40, turn=-90, fill="white")
    for y in range(80, -121, -40):
        for x in (-24, 36):  # wrong (off-axis, uneven-numbers): for x in (-24, 24):
            nib.travel_to(x, y)
            nib.circle(8, fill="gold")
    nib.travel_to(0, -140)
    nib.rectangle(160, 12, fill="white")
