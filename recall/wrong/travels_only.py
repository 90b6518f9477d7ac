from ovlo import drawing


@drawing
def path_of_a_gull(nib):
    for i in range(6):
        nib.travel(20 + 10 * i)  # wrong (nothing-drawn): nib.forward(20 + 10 * i)
        nib.left(50)
