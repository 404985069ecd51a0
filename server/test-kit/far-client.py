"""Somebody at a messenger's server, by a client that nobody here made; told what to do by lines of JSON."""

import asyncio
import json
import socket
import sys

from slixmpp import JID, ClientXMPP
from slixmpp.xmlstream import ET

address, password, host, port = sys.argv[1:5]

usual = socket.getaddrinfo
# Names that exist only in this test are on this machine.
socket.getaddrinfo = lambda name, *rest, **more: usual(
    "127.0.0.1" if str(name).endswith(".test") else name, *rest, **more
)


def tell(**what):
    print(json.dumps(what), flush=True)


class Far(ClientXMPP):
    def __init__(self):
        super().__init__(address, password)
        for plugin in ("xep_0085", "xep_0184", "xep_0363", "xep_0066"):
            self.register_plugin(plugin)
        # Its own way of finding the service stumbles over this version of Python.
        self["xep_0363"].upload_service = JID("files." + address.split("@")[1])
        self["feature_mechanisms"].unencrypted_scram = True
        self.add_event_handler("session_start", self.begin)
        self.add_event_handler("message", self.hear)
        self.add_event_handler("receipt_received", self.arrived)
        self.add_event_handler("changed_status", self.seen)
        self.add_event_handler("chatstate_composing", lambda m: tell(typing=m["from"].bare))
        self.add_event_handler("failed_auth", lambda _: tell(failed="auth"))

    async def begin(self, _):
        self.send_presence()
        await self.get_roster()
        tell(here=True)
        asyncio.ensure_future(self.obey())

    def hear(self, message):
        if message["type"] == "error":
            tell(refused=message["error"]["condition"])
        elif message["body"]:
            tell(heard=message["body"], by=message["from"].bare, id=message["id"], link=message["oob"]["url"])

    def arrived(self, message):
        tell(arrived=message["receipt"])

    def seen(self, presence):
        tell(presence=presence["type"], by=presence["from"].bare)

    async def obey(self):
        loop = asyncio.get_event_loop()
        lines = asyncio.StreamReader()
        await loop.connect_read_pipe(lambda: asyncio.StreamReaderProtocol(lines), sys.stdin)
        while line := await lines.readline():
            asked = json.loads(line)
            if "raw" in asked:
                self.send_raw(asked["raw"])
            elif "file" in asked:
                url = await self["xep_0363"].upload_file(
                    asked["name"], input_file=open(asked["file"], "rb"), content_type=asked["type"], size=asked["size"]
                )
                message = self.make_message(mto=asked["to"], mbody=url, mtype="chat")
                message["oob"]["url"] = url
                message.send()
            elif "watch" in asked:
                self.send_presence_subscription(pto=asked["watch"])
            else:
                message = self.make_message(mto=asked["to"], mbody=asked["say"], mtype="chat")
                if "id" in asked:
                    message["id"] = asked["id"]
                message["request_receipt"] = True
                for element in asked.get("more", []):
                    message.append(ET.fromstring(element))
                message.send()
        self.disconnect()


far = Far()
far.connect((host, int(port)), disable_starttls=True)
far.process(forever=True)
