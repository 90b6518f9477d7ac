from ovlo import drawing


@drawing(width=600, height=300)
def pearls(nib):
    nib.travel_to(-230, -80)
    for i in range(4):
        nib.arc_left(35, 360)
        nib.line_by(130, 60 if i % 2 == 0 else -60)  # wrong (stray-line): nib.travel_by(130, 60 if i % 2 == 0 else -60)
