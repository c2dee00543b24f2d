"""What battery monitors call their columns, in the languages in which their logs are met."""

# Whole words of a heading → what the column holds. The first that is found counts.
WORDS: dict[str, tuple[str, ...]] = {
    "moment": ("timestamp", "datetime", "date time", "time stamp", "zeitstempel", "datum zeit", "utc",
               "epoch", "unix"),
    "date": ("date", "datum", "day", "fecha", "tag", "data"),
    "clock": ("time", "zeit", "uhrzeit", "heure", "hora", "clock", "ora", "tid"),
    "celsius": ("temperature", "temp", "temperatur", "temperatura", "celsius", "fahrenheit"),
    "soc": ("soc", "%", "state of charge", "ladezustand", "percent", "charge level", "capacity left",
            "remaining", "remaining capacity", "consumed", "used", "soc percent", "level", "ladestand"),
    "out": ("discharge current", "current out", "discharging current", "load current", "entladestrom",
            "amps out"),
    "amps": ("current", "amps", "amp", "ampere", "strom", "courant", "corriente", "i", "a", "ma",
             "charge current", "ladestrom", "battery current"),
    "volts": ("voltage", "volts", "volt", "spannung", "tension", "u", "v", "mv", "battery voltage"),
}  # fmt: skip
# Units as they stand in headings → unit here, by what the column holds.
UNITS: dict[str, dict[str, str]] = {
    "volts": {"v": "V", "mv": "mV", "volts": "V", "volt": "V", "millivolts": "mV"},
    "amps": {"a": "A", "ma": "mA", "amps": "A", "milliamps": "mA"},
    "out": {"a": "A", "ma": "mA", "amps": "A", "milliamps": "mA"},
    "soc": {"%": "%", "percent": "%", "ah": "Ah", "consumed": "-Ah", "used": "-Ah"},
    "celsius": {"c": "°C", "°c": "°C", "f": "°F", "°f": "°F", "k": "K", "celsius": "°C", "fahrenheit": "°F"},
}
