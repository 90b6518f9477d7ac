from ovlo import drawing


@drawing
def gulls(nib, count=7):
    max = 90  # wrong (hidden-builtin): longest = 90
    for i in range(count):
        nib.travel_to(60 * i - 180, 30 * (i % 3))
        nib.turn_to(60)
        nib.arc_right(min(10 + 5 * i, 30), max)  # wrong (hidden-builtin): nib.arc_right(min(10 + 5 * i, 30), longest)
        nib.turn_to(60)
        nib.arc_right(max(8, 20 - i), 90)
