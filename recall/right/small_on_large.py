from ovlo import drawing


@drawing(width=1600, height=1200)
def lonely_kite(nib):
    nib.polygon(4, radius=50, fill="red")
