from ovlo import drawing


@drawing(width=420, height=420)
def web(nib, threads=9):
    for i in range(threads):  # wrong (drawn-again, retraced-line): for i in nib.full_turn(threads):
        nib.forward(190)
        nib.travel(-190)
