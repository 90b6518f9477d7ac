from ovlo import drawing


@drawing
def woven(nib):
    corners = []
    with nib.lifted():
        for _ in nib.full_turn(7):
            nib.forward(100)
            corners.append(nib.position)
    for i, start in enumerate(corners):
        nib.travel_to(start)
        nib.line_to(corners[(i + 3) % 7])
