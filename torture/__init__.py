"""Hard use: random programs, bad values, killed processes and pictures from elsewhere.

python -m torture --programs 10000
"""
