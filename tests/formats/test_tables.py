"""Lists out and in: what a spreadsheet reads, what a builder's own list is taken for."""

import csv
import zipfile
from dataclasses import replace
from io import BytesIO, StringIO

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook, load_workbook

from oaken_scale.core.assess import assess
from oaken_scale.core.model.amount import Amount
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.formats.parts_columns import Field
from oaken_scale.formats.parts_list import MOST_ROWS, cells, preview
from oaken_scale.formats.tables import Table, as_csv, as_xlsx, tables

PLANES = {"sandpiper": sandpiper(), **{each.build.id: each.build for each in fleet()}}
EMPTY = Build("b", "B")


def listed(build: Build) -> dict[str, Table]:
    return {each.name: each for each in tables(build, assess(build))}


def rows_of(file: bytes, build: Build = EMPTY, **more):
    return preview(cells(file), build, **more).rows


@pytest.mark.parametrize("plane", PLANES)
@pytest.mark.parametrize("is_comma", [False, True])
@pytest.mark.parametrize("kind", ["csv", "xlsx"])
def test_parts_that_went_out_come_in_again(plane, kind, is_comma):
    build = PLANES[plane]
    table = listed(build)["parts"]
    file = as_csv(table, is_comma) if kind == "csv" else as_xlsx([table])
    found = [row for row in rows_of(file) if row.why_not is None]
    told = {each.id: each for each in assess(build).parts}
    own = [part for part in build.parts if not part.retired]
    assert [row.name for row in found] == [part.name for part in own]
    for row, part in zip(found, own, strict=True):
        assert row.assembly == part.assembly
        assert row.pieces == part.pieces
        assert row.mass_g == pytest.approx(told[part.id].mass_g, abs=1e-3)
        x = told[part.id].x_from_nose_mm
        assert row.station_mm == (None if x is None else pytest.approx(x, abs=0.01))
    again = rows_of(file, build)
    assert all(row.is_known or row.why_not for row in again)


@pytest.mark.parametrize("plane", PLANES)
def test_every_list_opens_in_a_spreadsheet_and_sums_itself(plane):
    all_of = tables(PLANES[plane], assess(PLANES[plane]))
    book = load_workbook(BytesIO(as_xlsx(all_of)))
    assert book.sheetnames == ["parts", "weighings", "loadouts", "throws", "runs"]
    sheet = book["parts"]
    last = len(all_of[0].rows) + 2
    assert sheet.cell(last, 3).value == f"=SUM(C2:C{last - 1})"
    assert sum(sheet.cell(row, 3).value for row in range(2, last)) == pytest.approx(
        sum(
            each.mass_g
            for each in assess(PLANES[plane]).parts
            if not next(i for i in PLANES[plane].parts if i.id == each.id).retired
        ),
        abs=0.05,
    )
    for table in all_of:
        read = list(csv.reader(StringIO(as_csv(table).decode("utf-8-sig"))))
        assert len(read) == len(table.rows) + 1
        assert {len(row) for row in read} == {len(table.headings)}


@pytest.mark.parametrize(
    "word", ["=1+1", "+49 170", "-5", "@SUM(A1)", "\tx", "'tis", "=cmd|' /C'!A0"]
)
def test_no_word_becomes_a_formula_and_each_comes_back(word):
    part = Part("i", word, Pedigree.GUESS, stated_g=5.0)
    table = listed(replace(EMPTY, parts=(part,)))["parts"]
    (line,) = list(csv.reader(StringIO(as_csv(table).decode("utf-8-sig"))))[1:]
    assert not line[0].startswith(("=", "+", "-", "@", "\t"))
    sheet = load_workbook(BytesIO(as_xlsx([table])))["parts"]
    assert sheet.cell(2, 1).data_type == "s"
    for file in (as_csv(table), as_xlsx([table])):
        assert rows_of(file)[0].name == " ".join(word.split())


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("Name,Weight (g),Arm (mm)\nMotor,28.5,40\n", ("Motor", 28.5, 1, 40.0)),
        ("Bauteil;Gewicht;Hebelarm [cm]\nMotor;28,5;4\n", ("Motor", 28.5, 1, 40.0)),
        ("Arm in inches\toz\tQty\tPart\n2\t1\t2\tServo\n", ("Servo", 28.349523125, 2, 50.8)),
        ("Qty,Part,Weight each g\n4,Servo,9\n", ("Servo", 36.0, 4, None)),
        ("Motor,28.5,40\n", ("Motor", 28.5, 1, 40.0)),
        ("My plane\n\nComponent;mass\nMotor;1.028,5 g\n", ("Motor", 1028.5, 1, None)),
        ("name,mass\nMotor,1 oz\n", ("Motor", 28.349523125, 1, None)),
        ("Bezeichnung;Masse (g);Lage mm\nNase;5;-12,5\n", ("Nase", 5.0, 1, -12.5)),
        ("Item,Weight (g),Qty,CG arm (mm)\nServo,18,2,240\n", ("Servo", 18.0, 2, 240.0)),
        ("Description;Weight;Distance from nose\nMotor;28,5;40\n", ("Motor", 28.5, 1, 40.0)),
        ("Item,Unit weight,Qty,Total weight (g)\nServo,9,2,18\n", ("Servo", 18.0, 2, None)),
        ("Stuff,g\nMotor,28.5\n", ("Motor", 28.5, 1, None)),
        ("Motor,28 g\n", ("Motor", 28.0, 1, None)),
        ("Part,mm from LE,g\nMotor,20,28\n", ("Motor", 28.0, 1, None)),
        ("Part,Distance from LE (mm),g\nMotor,20,28\n", ("Motor", 28.0, 1, None)),
        ("Part,Distance (mm),g\nMotor,20,28\n", ("Motor", 28.0, 1, 20.0)),
        ("Item,g\n3-cell 1300,110\n", ("3-cell 1300", 110.0, 1, None)),
        ("Part,Description,g\nMotor,an outrunner,28\n", ("Motor", 28.0, 1, None)),
        ("Group,Stuff,g\nNose,Motor,28\n", ("Motor", 28.0, 1, None)),
        ("Item,Description,g\n7,Motor,28\n", ("Motor", 28.0, 1, None)),
        ("Part,g\n101,28\n", ("101", 28.0, 1, None)),
    ],
)
def test_lists_as_builders_keep_them(text, expected):
    for file in (text.encode(), text.encode("utf-16"), text.encode("cp1252")):
        (row,) = rows_of(file)
        assert row.why_not is None
        assert (row.name, row.pieces) == (expected[0], expected[2])
        assert row.mass_g == pytest.approx(expected[1])
        assert row.station_mm == (None if expected[3] is None else pytest.approx(expected[3]))


@pytest.mark.parametrize(
    ("heading", "numbers", "pieces"),
    [
        ("No.", ("1", "2", "3"), [1, 1, 1]),
        ("Number", ("1.", "2.", "3."), [1, 1, 1]),
        ("No.", ("2", "1", "4"), [2, 1, 4]),
        ("Qty", ("1", "2", "3"), [1, 2, 3]),
    ],
)
def test_lines_that_are_numbered_are_not_so_many_pieces(heading, numbers, pieces):
    lines = zip(numbers, ("Motor", "Servo", "Wing"), strict=True)
    text = f"{heading},Thing,g\n" + "".join(f"{number},{name},9\n" for number, name in lines)
    rows = rows_of(text.encode())
    assert [row.name for row in rows] == ["Motor", "Servo", "Wing"]
    assert [row.pieces for row in rows] == pieces


def test_lines_of_parts_alone_head_nothing():
    assert [row.name for row in rows_of(b"Motor,28 g\nServo,9 g\n")] == ["Motor", "Servo"]


def test_names_stand_in_one_column():
    columns = preview(cells(b"Item,Description,g\n1,Motor,28\n"), EMPTY).columns
    assert [column.field for column in columns] == [None, Field.NAME, Field.MASS]


def test_what_is_no_part_is_left_out_and_says_why():
    text = "part,mass\nMotor,28\n,5\nTotal,33\nMotor,28\nLead,heavy\nAnvil,9 kg\nSumme,3\n"
    rows = rows_of(text.encode())
    assert [row.why_not is None for row in rows] == [True, *[False] * 6]
    whys = " ".join(f"{row.why_not.field} {row.why_not.words}" for row in rows if row.why_not)
    said = ("has no name", "is a sum", "on the list already", 'mass "heavy" is', "at most 5000 g")
    for words in said:
        assert words in whys


def test_a_column_is_what_the_builder_says_it_is():
    file = b"a,b,c\nMotor,40,28\n"
    (row,) = [
        row
        for row in rows_of(file, taken_for={0: Field.NAME, 1: Field.STATION, 2: Field.MASS})
        if row.name == "Motor"
    ]
    assert (row.mass_g, row.station_mm) == (28.0, 40.0)
    each = b"part,g each,qty,lies at\nServo,9,2,30\n"
    (servo,) = rows_of(each, taken_for={3: Field.STATION})
    assert (servo.mass_g, servo.pieces, servo.station_mm) == (18.0, 2, 30.0)
    with pytest.raises(BuildFaultError, match="no column of names"):
        rows_of(file, taken_for={0: None})


def bomb() -> bytes:
    out = BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("xl/workbook.xml", b"0" * 60_000_000)
    return out.getvalue()


def long_list() -> bytes:
    book = Workbook()
    for k in range(MOST_ROWS + 10):
        book.worksheets[0].append([f"Part {k}", 1])
    out = BytesIO()
    book.save(out)
    return out.getvalue()


@pytest.mark.parametrize(
    ("file", "words"),
    [
        (lambda: b"", "holds nothing"),
        (lambda: b"\n\n,,\n", "holds nothing"),
        (lambda: b"\0\1\2\3" * 50, "no text"),
        (lambda: b"PK\3\4 is no zip", "xlsx"),
        (bomb, "far more"),
        (long_list, "lines"),
        (lambda: b"x," * 200, "columns wide"),
        (lambda: b"a\n" * 30_000, "lines"),
        (lambda: b"x" * 9_000_000, "larger than"),
    ],
)
def test_what_is_no_list_is_refused_in_words(file, words):
    with pytest.raises(BuildFaultError) as refused:
        cells(file())
    assert refused.value.faults[0].field == "file"
    assert words in refused.value.faults[0].words


@given(st.binary(max_size=400) | st.text(max_size=400).map(str.encode))
def test_any_bytes_are_read_or_refused(file):
    try:
        found = rows_of(file)
    except BuildFaultError:
        return
    for row in found:
        assert row.why_not is not None or row.name


@given(
    st.lists(
        st.tuples(
            st.text(st.characters(categories=("L", "N")), min_size=1, max_size=12),
            st.floats(0.1, 999).map(lambda each: round(each, 2)),
        ),
        min_size=1,
        max_size=20,
        unique_by=lambda row: row[0].lower(),
    ),
    st.booleans(),
)
def test_any_list_of_parts_comes_in_as_it_went_out(rows, is_comma):
    parts = tuple(
        Part(f"i{k}", f"P {name}", Pedigree.GUESS, stated_g=grams)
        for k, (name, grams) in enumerate(rows)
    )
    table = listed(replace(EMPTY, parts=parts))["parts"]
    found = rows_of(as_csv(table, is_comma))
    assert [row.name for row in found] == [part.name for part in parts]
    assert [row.mass_g for row in found] == pytest.approx([grams for _, grams in rows])


@pytest.mark.parametrize(
    ("row", "why"),
    [
        ("A;5000.1;100;0;0", "mass is 5000.1 g; it should be at most 5000 g"),
        ("A;5;5001;0;0", "station is 5001 mm; it should be at most 5000 mm"),
        ("A;5;-5001;0;0", "station is -5001 mm; it should be at least -5000 mm"),
        ("A;5;100;5001;0", "side is 5001 mm; it should be at most 5000 mm"),
        ("A;5;100;0;-5001", "height is -5001 mm; it should be at least -5000 mm"),
        ("A\x07;5;100;0;0", "name "),
        ("A;5000;5000;-5000;5000", None),
    ],
)
def test_a_line_that_could_not_be_kept_is_told_while_it_is_looked_at(demo, row, why):
    """What is looked at and allowed is kept; what is not is refused in the same words."""
    sent = f"name;mass g;station;side;height\n{row}\n".encode()
    told = demo.post("/api/v1/parts-list?build=sandpiper", content=sent).json()
    (line,) = told["rows"]
    assert (line["why_not"] is None) == (why is None), line
    if why is not None:
        said = line["why_not"]
        facts = (f if isinstance(f, str) else Amount(**f) for f in said["facts"])
        assert f"{said['field']} {said['text'].format(*facts)}".startswith(why)
    listed = {key: line[key] for key in ("name", "assembly", "mass_g", "pieces", "station_mm")}
    listed |= {key: line[key] or 0.0 for key in ("side_mm", "height_mm")}
    at = "/api/v1/builds/sandpiper"
    headers = {"If-Match": f'"{demo.get(at).json()["revision"]}"'}
    kept = demo.post(f"{at}/parts-list", json={"parts": [listed]}, headers=headers)
    assert kept.status_code == (201 if why is None else 422), kept.text
