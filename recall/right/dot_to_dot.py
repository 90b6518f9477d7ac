from ovlo import drawing


@drawing
def dot_to_dot(nib):
    for i, (x, y) in enumerate([(-150, -100), (-80, 90), (40, 130), (120, 20), (60, -120)]):
        nib.line_to(x, y)
        nib.circle(4, fill="black")
        with nib.returning():
            nib.travel_by(8, 8)
            nib.text(str(i + 1))
