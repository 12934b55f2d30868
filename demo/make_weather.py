#!/usr/bin/env python3
"""Writes the demo's weather: an invented year at the pottery, hour by hour. Nothing in it was measured.

usage: make_weather.py > weather/millrace.csv

Each day has a kind of sky that depends on the day before; its hours drift between that of clear air and none. The
beam is what clear air leaves of the sun, less clouds; the sky gets part of what clouds take.
"""
import math
import random

LATITUDE, LONGITUDE, ZONE = 52.3, 10.4, 1
DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]
KINDS = {"clear": 0.9, "broken": 0.55, "grey": 0.12}  # mean share of the beam that gets through
STAYS = 0.62


def sun_altitude(day, hour):
    """Degrees; good to half a degree, which is all that invented clouds ask for."""
    turn = 2 * math.pi * (day - 81) / 365
    declination = math.radians(23.45) * math.sin(turn)
    equation = 9.87 * math.sin(2 * turn) - 7.53 * math.cos(turn) - 1.5 * math.sin(turn)
    solar = hour - ZONE + LONGITUDE / 15 + equation / 60
    angle = math.radians(15 * (solar - 12))
    latitude = math.radians(LATITUDE)
    sine = math.sin(latitude) * math.sin(declination) + math.cos(latitude) * math.cos(declination) * math.cos(angle)
    return math.degrees(math.asin(sine))


def main():
    dice = random.Random(4711)
    print("place,Millrace (invented)\nlatitude,%g\nlongitude,%g\ntime_zone,%g\nelevation,80" % (LATITUDE, LONGITUDE, ZONE))
    print("month,day,hour,direct_W_m2,diffuse_W_m2,dew_point_C")
    kind, number = "grey", 0
    for month, days in enumerate(DAYS, 1):
        for day in range(1, days + 1):
            number += 1
            summer = 0.5 - 0.5 * math.cos(2 * math.pi * (number - 10) / 365)
            if dice.random() > STAYS:
                kind = dice.choices(list(KINDS), [0.10 + 0.10 * summer, 0.32 + 0.1 * summer, 0.58 - 0.20 * summer])[0]
            share = KINDS[kind]
            dew = -1 + 13 * summer + dice.gauss(0, 2)
            for hour in range(1, 25):
                share += 0.35 * (KINDS[kind] - share) + dice.gauss(0, 0.13 if kind == "broken" else 0.05)
                share = min(1, max(0, share))
                altitude = sun_altitude(number, hour - 0.5)
                direct = diffuse = 0
                if altitude > 0:
                    sine = math.sin(math.radians(altitude))
                    mass = 1 / (sine + 0.15 * (altitude + 3.885) ** -1.253)
                    clear_beam = 1353 * 0.72 ** (mass ** 0.678)
                    clear_sky = 0.3 * (1353 * sine - clear_beam * sine)
                    direct = clear_beam * max(0, (share - 0.15) / 0.85)
                    diffuse = clear_sky + 0.42 * (clear_beam - direct) * sine
                    if kind == "grey":
                        diffuse *= 0.75
                print("%d,%d,%d,%d,%d,%.1f" % (month, day, hour, round(direct), round(diffuse), dew))


main()
