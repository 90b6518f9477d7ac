from ovlo import drawing


@drawing
def page(nib):
    nib.rectangle(640, 480, fill="white", outline=False)
    nib.circle(60, fill="gold")
