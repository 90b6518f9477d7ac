from ovlo import Sheet

sheet = Sheet(640, 480)
nib = sheet.new_nib()
for _ in range(11):  # wrong (rosette-misses-360): for _ in range(12):
    nib.travel(120)
    nib.circle(30, fill="orange")
    nib.travel(-120)
    nib.left(30)
sheet.save("floats.svg")
