"""One question to a server, as the campaigns ask it."""
import json
import time
import urllib.error
import urllib.request


def ask(base, method, path, body=None, key=None, limit=40):
    """Status, answer, seconds. Status 0 where none came."""
    began = time.monotonic()
    r = urllib.request.Request(base + path, method=method, data=None if body is None else json.dumps(body).encode())
    r.add_header("content-type", "application/json")
    if key:
        r.add_header("idempotency-key", key)

    def told(status, answer):
        try:
            return status, json.loads(answer.read() or b"null"), time.monotonic() - began
        except (ValueError, OSError):
            return (status if status >= 400 else 0), None, time.monotonic() - began

    try:
        with urllib.request.urlopen(r, timeout=limit) as a:
            return told(a.status, a)
    except urllib.error.HTTPError as e:
        return told(e.code, e)
    except (OSError, ValueError):
        return 0, None, time.monotonic() - began
