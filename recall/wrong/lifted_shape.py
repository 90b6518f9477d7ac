from ovlo import Sheet

sheet = Sheet()
nib = sheet.new_nib()
nib.forward(100)
with nib.lifted():
    nib.back(50)
    nib.star(5, 40)  # wrong (still-lifted): nib.pause(1)
    #+ pass
nib.left(90)
nib.forward(60)
