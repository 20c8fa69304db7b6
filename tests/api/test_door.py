"""Who may come in: other sites write nothing, other names read nothing, no page is framed."""

import pytest

AT = "/api/v1/builds/sandpiper"


def revision(demo) -> int:
    return demo.get(AT).json()["revision"]


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://elsewhere.example"},
        {"Origin": "null"},
        {"Origin": "http://testserver:9999"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
)
@pytest.mark.parametrize("path", ["tare", "clear", "joints/none/clear"])
def test_another_site_changes_nothing_even_without_a_body(demo, headers, path):
    pan = {"loads": [{"part": "motor"}]}
    demo.put(f"{AT}/pan", json=pan)
    before = demo.get(f"{AT}/pan").json()
    answer = demo.post(f"{AT}/{path}", headers=headers)
    assert answer.status_code == 403
    assert "nothing was changed" in answer.json()["detail"]
    assert demo.get(f"{AT}/pan").json() == before


@pytest.mark.parametrize(
    "kind", ["text/plain", "application/x-www-form-urlencoded", "multipart/form-data; boundary=x"]
)
def test_what_a_form_can_send_is_no_body(demo, kind):
    before = len(demo.get("/api/v1/builds").json())
    body = b'{"name": "Planted"}'
    answer = demo.post("/api/v1/builds", content=body, headers={"Content-Type": kind})
    assert answer.status_code == 415
    assert kind.split(";")[0] in answer.json()["detail"]
    assert len(demo.get("/api/v1/builds").json()) == before


def test_our_own_pages_and_programs_come_in(demo):
    own = {"Origin": "http://testserver", "Sec-Fetch-Site": "same-origin"}
    assert demo.post(f"{AT}/tare", headers=own).status_code == 200
    assert demo.post(f"{AT}/tare").status_code == 200


@pytest.mark.parametrize(
    ("host", "status"),
    [
        ("evil.example", 421),
        ("evil.example:8017", 421),
        ("127.0.0.1.evil.example", 421),
        ("192.168.1.7:8017", 421),
        ("localhost:8017", 200),
        ("127.0.0.1:8017", 200),
        ("[::1]:8017", 200),
    ],
)
def test_a_name_that_somebody_else_points_here_reads_nothing(demo, host, status):
    answer = demo.get("/api/v1/builds", headers={"Host": host})
    assert answer.status_code == status
    if status == 421:
        assert "Sandpiper" not in answer.text


@pytest.mark.parametrize("path", ["/", "/api/v1/builds", "/api/v1/nothing"])
def test_every_answer_says_how_it_may_be_used(demo, path):
    headers = demo.get(path).headers
    policy = headers["content-security-policy"]
    assert "default-src 'self'" in policy
    assert "frame-ancestors 'none'" in policy
    assert "script-src" not in policy, "scripts come under default-src: from here only"
    assert headers["x-frame-options"] == "DENY"
    assert headers["x-content-type-options"] == "nosniff"


@pytest.mark.parametrize(
    ("port", "status"),
    [
        ("/dev/ttyUSB0", 200),
        ("/dev/pts/12", 200),
        ("/dev/serial/by-id/usb-scale_0001-if00", 200),
        ("COM3", 200),
        ("/dev/pts/../../etc/passwd", 422),
        ("/dev/tty/../../etc/passwd", 422),
        ("/dev/serial/by-id/../../../etc/passwd", 422),
        ("/dev/serial/by-id/..", 422),
        ("/etc/passwd", 422),
    ],
)
def test_only_a_serial_device_is_a_port(demo, port, status):
    told = demo.get(AT).json()
    scale = {**told["build"]["scales"][0], "port": port}
    answer = demo.patch(AT, json={"scales": [scale]}, headers={"If-Match": f'"{told["revision"]}"'})
    assert answer.status_code == status
