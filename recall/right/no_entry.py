from ovlo import drawing


@drawing
def no_landing(nib):
    nib.circle(100, fill="firebrick", outline=False)
    nib.rectangle(140, 36, fill="white", outline=False)
