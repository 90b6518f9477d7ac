from ovlo import drawing


@drawing
def row(nib, count=7):
    sails = ["crimson", "gold", "seagreen"]
    nib.travel_to(-240, 0)
    for i in range(count):
        nib.polygon(3, radius=30, turn=90, fill=sails[0])  # wrong (unused-items): nib.polygon(3, radius=30, turn=90, fill=sails[i % 3])
        nib.travel_by(80, 0)
