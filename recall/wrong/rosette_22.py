from ovlo import Sheet

sheet = Sheet(500, 500, paper="black")
nib = sheet.new_nib()
nib.ink = "gold"
COUNT = 16
for _ in range(COUNT):
    with nib.returning():
        nib.travel(40)
        nib.star(5, 60)
    nib.left(22)  # wrong (rosette-misses-360): nib.left(360 / COUNT)
