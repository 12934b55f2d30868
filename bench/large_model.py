#!/usr/bin/env python3
"""A large building model: what importing it takes, against reading the same bytes line by line in Python.

    bench/large_model.py build/release/src/glowgrid [MEGABYTES]
"""
import os, resource, subprocess, sys, tempfile, time

HEAD = """ISO-10303-21;
HEADER;
FILE_SCHEMA(('IFC4'));
ENDSEC;
DATA;
#1=IFCSIUNIT(*,.LENGTHUNIT.,.MILLI.,.METRE.);
#2=IFCUNITASSIGNMENT((#1));
#3=IFCCARTESIANPOINT((0.,0.,0.));
#4=IFCAXIS2PLACEMENT3D(#3,$,$);
#5=IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-5,#4,$);
#6=IFCPROJECT('p',$,'Large',$,$,$,$,(#5),#2);
#7=IFCLOCALPLACEMENT($,#4);
#8=IFCDIRECTION((0.,0.,1.));
"""


class Model:
    def __init__(self, file):
        self.file, self.number, self.size = file, 8, 0
        file.write(HEAD)

    def add(self, record):
        self.number += 1
        self.size += self.file.write(f"#{self.number}={record};\n")
        return f"#{self.number}"

    def space(self, name, x, y, z):
        points = [self.add(f"IFCCARTESIANPOINT(({px}.,{py}.))")
                  for px, py in ((x, y), (x + 4000, y), (x + 4000, y + 5000), (x, y + 5000))]
        line = self.add(f"IFCPOLYLINE(({','.join(points + points[:1])}))")
        profile = self.add(f"IFCARBITRARYCLOSEDPROFILEDEF(.AREA.,$,{line})")
        low = self.add(f"IFCCARTESIANPOINT((0.,0.,{z}.))")
        place = self.add(f"IFCAXIS2PLACEMENT3D({low},$,$)")
        solid = self.add(f"IFCEXTRUDEDAREASOLID({profile},{place},#8,2800.)")
        return self.product(f"IFCSPACE('{name}',$,'{name}',$,$,#7,SHAPE,'Office',.ELEMENT.,.INTERNAL.,$)", solid)

    def product(self, record, solid):
        body = self.add(f"IFCSHAPEREPRESENTATION(#5,'Body','Brep',({solid}))")
        return self.add(record.replace("SHAPE", self.add(f"IFCPRODUCTDEFINITIONSHAPE($,$,({body}))")))

    def furniture(self, k, x, y, z):
        """Something round of many small faces, as catalogues have them."""
        faces = []
        for i in range(60):
            corners = [self.add(f"IFCCARTESIANPOINT(({x + 7 * i + a}.125,{y + 11 * i + b}.75,{z + c}.5))")
                       for a, b, c in ((0, 0, 0), (40, 0, 9), (40, 30, 700), (0, 30, 710))]
            loop = self.add(f"IFCPOLYLOOP(({','.join(corners)}))")
            faces.append(self.add(f"IFCFACE(({self.add(f'IFCFACEOUTERBOUND({loop},.T.)')}))"))
        solid = self.add(f"IFCFACETEDBREP({self.add(f'IFCCLOSEDSHELL(({chr(44).join(faces)}))')})")
        self.product(f"IFCFURNISHINGELEMENT('f{k}',$,'Chair {k}',$,$,#7,SHAPE,$)", solid)


def write(path, megabytes):
    rooms = 0
    with open(path, "w", encoding="ascii") as file:
        model = Model(file)
        storey = 0
        while model.size < megabytes * 1e6:
            z = 3200 * storey
            place = model.add(f"IFCAXIS2PLACEMENT3D({model.add(f'IFCCARTESIANPOINT((0.,0.,{z}.))')},$,$)")
            at = model.add(f"IFCLOCALPLACEMENT(#7,{place})")
            floor = model.add(f"IFCBUILDINGSTOREY('s{storey}',$,'Storey {storey}',$,$,{at},$,$,.ELEMENT.,{z}.)")
            spaces = []
            for k in range(40):
                x, y = 4200 * (k % 20), 7000 * (k // 20)
                spaces.append(model.space(f"{storey}.{k:02}", x, y, z))
                for chair in range(4):
                    model.furniture(f"{storey}-{k}-{chair}", x + 500 + 300 * chair, y + 900, z)
            model.add(f"IFCRELAGGREGATES('a{storey}',$,$,$,{floor},({','.join(spaces)}))")
            rooms += len(spaces)
            storey += 1
        file.write("ENDSEC;\nEND-ISO-10303-21;\n")
    return rooms


def main():
    program = os.path.abspath(sys.argv[1])
    megabytes = int(sys.argv[2]) if len(sys.argv) > 2 else 100
    with tempfile.TemporaryDirectory() as folder:
        path = os.path.join(folder, "large.ifc")
        rooms = write(path, megabytes)
        begin = time.monotonic()
        subprocess.run([program, "import", path, "-o", os.path.join(folder, "p.toml"), "-q"], check=True,
                       stdout=subprocess.DEVNULL)
        taken = time.monotonic() - begin
        peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024
        begin = time.monotonic()
        with open(path, "rb") as file:
            lines = sum(1 for line in file if line.strip())
        plain = time.monotonic() - begin
        print(f"model of {os.path.getsize(path) / 1e6:.0f} MB, {lines} records, {rooms} rooms: import {taken:.2f} s, "
              f"{taken / plain:.1f} times Python reading its lines; peak memory {peak:.0f} MB")


main()
