from ovlo import drawing


@drawing
def truchet(nib):
    for row in range(6):
        for column in range(8):
            x, y = -200 + 50 * column, -150 + 50 * row
            flip = nib.dice.chance(0.5)
            nib.travel_to(x - 25, y if flip else y)
            nib.turn_to(0)
            if flip:
                nib.arc_left(25, 90)
                nib.travel_to(x + 25, y)
                nib.turn_to(180)
                nib.arc_left(25, 90)
            else:
                nib.arc_right(25, 90)
                nib.travel_to(x + 25, y)
                nib.turn_to(180)
                nib.arc_right(25, 90)
