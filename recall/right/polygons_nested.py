from ovlo import drawing


@drawing
def nested(nib):
    for radius in range(200, 20, -20):
        nib.polygon(6, radius=radius, turn=radius / 4)
