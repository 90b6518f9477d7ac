from ovlo import drawing


@drawing
def target(nib, rings=6):
    for ring in range(rings, 0):  # wrong (empty-range): for ring in range(rings, 0, -1):
        nib.circle(20 * ring, fill="tomato" if ring % 2 else "white")
    nib.travel_to(0, -180)
    nib.text("Archery on the beach", size=20, align="middle")
