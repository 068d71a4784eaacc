"""Photographs of paper pieces, drawn as a camera would take them: from a side, blurred, noisy, in half a shadow."""

import resource

import cv2
import numpy as np
import pytest
from fastapi.testclient import TestClient
from pytest import approx

from gentle_hem.api.app import create_app
from gentle_hem.formats.apart import NotReadError, ReadingRoom
from gentle_hem.formats.outlines import UnreadableError
from gentle_hem.formats.photo import read_photo
from gentle_hem.store import Store

MAT = (600.0, 450.0)
PIECE = [(60, 40), (480, 50), (500, 390), (90, 360)]
"""Where its corners lie on the mat (mm): its sides are by hand 420.1, 340.6, 411.1 and 321.4 mm."""

SIDES = [420.12, 340.59, 411.10, 321.40]
SEEN = [(300, 200), (2650, 330), (2780, 2120), (210, 2050)]


def photograph(size=(3000, 2300), seen=SEEN, blur=1.5, noise=6, shadow=0.45, paper=215, mat=70, table=150, piece=PIECE):
    """A picture of the piece on the mat: perspective, a shadow from side to side, blur, grain, JPEG."""
    by_chance, fine = np.random.default_rng(3), 5
    flat = np.full((int(MAT[1]) * fine, int(MAT[0]) * fine), mat, np.float32)
    cv2.fillPoly(flat, [(np.array(piece) * fine).astype(np.int32)], float(paper), lineType=cv2.LINE_AA)
    corners = np.array([(0, 0), (MAT[0], 0), MAT, (0, MAT[1])], dtype=np.float32) * fine
    turned = cv2.getPerspectiveTransform(corners, np.array(seen, dtype=np.float32))
    width, height = size
    laid = cv2.warpPerspective(flat, turned, size, flags=cv2.INTER_AREA)
    there = cv2.warpPerspective(np.ones_like(flat), turned, size)
    picture = np.where(there > 0.5, laid, np.float32(table))
    down, across = np.mgrid[0:height, 0:width]
    picture = picture * (1 - shadow * (across / width * 0.6 + down / height * 0.4))
    picture = cv2.GaussianBlur(picture.astype(np.float32), (0, 0), blur) + by_chance.normal(0, noise, (height, width))
    done, content = cv2.imencode(".jpg", np.clip(picture, 0, 255).astype(np.uint8), [cv2.IMWRITE_JPEG_QUALITY, 88])
    assert done
    return content.tobytes()


def sides_of(outline):
    """Its four sides, from the one that is 420 long."""
    lengths = [edge.path.length for edge in outline.edges]
    assert len(lengths) == 4
    start = lengths.index(max(lengths))
    return [lengths[(start + k) % 4] for k in range(4)]


@pytest.mark.parametrize(
    "taken",
    [
        {},
        {"shadow": 0.6, "noise": 10, "blur": 2.5},
        {"paper": 90, "mat": 200, "table": 120},
        {"seen": [(520, 240), (2500, 420), (2850, 2180), (180, 1990)]},
    ],
    ids=["plain", "in a shadow", "a light mat", "from a side"],
)
def test_a_piece_of_forty_centimetres_comes_back_within_two_millimetres(taken):
    seen = read_photo("front.jpg", photograph(**taken), MAT)
    found = sides_of(seen.outline)
    assert found == approx(SIDES, abs=2.0) or [found[0], *found[:0:-1]] == approx(SIDES, abs=2.0)
    for corner, true in zip(seen.corners, taken.get("seen", SEEN), strict=True):
        assert corner == approx(true, abs=5)


def test_corners_set_by_hand_are_taken_as_they_are():
    """A mat whose left third is out of the picture, or hidden: set where its corners are, all is measured right."""
    hidden = photograph(table=70)  # the table is as dark as the mat: no edge is to be seen
    with pytest.raises(UnreadableError, match="corners"):
        read_photo("front.jpg", hidden, MAT)
    seen = read_photo("front.jpg", hidden, MAT, tuple(SEEN))
    assert max(sides_of(seen.outline)) == approx(SIDES[0], abs=2.0)


@pytest.mark.parametrize(
    ("taken", "advice"),
    [
        ({"blur": 14}, "Hold the camera still"),
        ({"paper": 84}, "Take a mat darker than the paper"),
        ({"seen": [(1000, 500), (1900, 450), (2950, 2250), (60, 2280)]}, "straight above the mat"),
        ({"seen": [(300, 200), (900, 230), (920, 700), (310, 690)]}, "corners are not to be seen|Go nearer"),
        ({"piece": [(-20, 40), (480, 50), (500, 390), (-20, 360)]}, "within the mat|corners"),
        ({"size": (280, 210), "seen": [(20, 20), (250, 22), (255, 190), (22, 188)]}, "at least 1500 across"),
    ],
    ids=["blurred", "pale", "oblique", "far away", "over the edge", "tiny"],
)
def test_a_bad_photograph_is_refused_with_what_to_do_about_it(taken, advice):
    with pytest.raises(UnreadableError, match=advice):
        read_photo("front.jpg", photograph(**taken), MAT)


@pytest.fixture(scope="module")
def room():
    room = ReadingRoom()
    yield room
    room.close()


def test_forty_eight_megapixels_are_read_in_ten_seconds_and_more_refused(room):
    """In the reader's own process, as it is sent."""
    large = [(corner[0] * 2.6, corner[1] * 2.6) for corner in SEEN]
    content = photograph(size=(8000, 6000), seen=large, blur=3)
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    seen = room.read("photo", "front.jpg", content, mat=MAT, corners=None)
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    took = after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime
    assert 0.1 < took < 10  # of its own, whatever else the machine does
    assert max(edge["length"] for edge in seen["outline"]["edges"]) == approx(SIDES[0], abs=2.0)
    header = cv2.imencode(".png", np.zeros((7000, 8000), np.uint8))[1].tobytes()
    with pytest.raises(NotReadError, match="56 megapixels"):
        room.read("photo", "wide.png", header, mat=MAT, corners=None)


@pytest.mark.parametrize("content", [b"", b"\xff\xd8\xff not a photograph", b"GIF89a", b"%PDF-1.4"])
def test_what_is_no_photograph_is_refused_in_a_sentence(room, content):
    with pytest.raises(NotReadError, match="not a photograph"):
        room.read("photo", "front.jpg", content, mat=MAT, corners=None)


def test_a_photograph_is_sent_and_comes_back_as_an_outline_to_be_named(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        files = {"file": ("front.jpg", photograph())}
        seen = client.post("/api/blocks/photo?unit=cm", files=files, data={"mat": "60 x 45 cm"})
        assert seen.status_code == 200, seen.text
        said = seen.json()
        assert (said["width"], said["height"]) == (3000, 2300)
        assert len(said["outline"]["edges"]) == 4
        by_hand = " ".join(f"{x},{y}" for x, y in SEEN)
        again = client.post("/api/blocks/photo", files=files, data={"mat": "60 x 45 cm", "corners": by_hand})
        assert again.json()["corners"] == [approx(corner) for corner in SEEN]
        for wrong in ({"mat": ""}, {"mat": "60 cm"}, {"mat": "60 x 45 cm", "corners": "1,2 3,4"}):
            assert client.post("/api/blocks/photo", files=files, data=wrong).status_code == 422
