"""Every kind of file: the same bytes each time, as large as planned, with every option that it offers."""

from itertools import chain, combinations

import pytest

from obrell.core.deliver.bundle import make
from obrell.core.deliver.order import Order, read_order
from obrell.core.deliver.plan import plan
from obrell.core.errors import BadValue
from obrell.core.formats import FORMATS
from obrell.samples.wendmere_lock import wendmere_lock


def subsets(names):
    return chain.from_iterable(combinations(names, count) for count in range(len(names) + 1))


ASKED = [(name, fields) for name, form in FORMATS.items() for fields in subsets(form.options.model_fields)]


def files(form, fields=(), **values):
    kit = wendmere_lock()
    order = Order(formats=(form,), options=tuple(f"{form}.{field}" for field in fields), **values)
    return plan(kit, kit.controls[:3], order).files


@pytest.mark.parametrize(("form", "fields"), ASKED)
@pytest.mark.parametrize("trimmed", [False, True])
def test_files_are_as_large_as_planned_and_the_same_each_time(form, fields, trimmed):
    for file in files(form, fields, densities=(1.5,), trimmed=trimmed):
        content = make(file)
        assert content == make(file)
        assert file.name.endswith(f".{form}")
        assert FORMATS[form].measure(content) == (file.pixels.width, file.pixels.height)


@pytest.mark.parametrize("form", FORMATS)
def test_one_file_does_for_all_densities_or_there_is_one_for_each(form):
    made = files(form, densities=(1.0, 2.0, 3.0), states=("rest",))
    assert len(made) == 3 * (1 if FORMATS[form].scalable else 3)


@pytest.mark.parametrize("form", FORMATS)
def test_every_option_is_a_switch_that_is_off_and_says_what_it_does(form):
    for field in FORMATS[form].options.model_fields.values():
        assert (field.annotation, field.default) == (bool, False)
        assert field.title
        assert field.description


@pytest.mark.parametrize("form", [name for name, fields in ASKED if len(fields) == 1])
def test_an_option_changes_the_file_of_its_own_kind_only(form):
    (field,) = FORMATS[form].options.model_fields
    asked = Order(options=(f"{form}.{field}",))
    assert [name for name in FORMATS if asked.options_of(name) != FORMATS[name].options()] == [form]
    assert make(files(form)[0]) != make(files(form, (field,))[0])


@pytest.mark.parametrize("values", [
    {"formats": ("jpg",)}, {"formats": ("png", "")}, {"options": ("svg.nothing",)}, {"options": ("fitted",)},
])  # fmt: skip
def test_what_there_is_not_is_refused_with_what_there_is(values):
    with pytest.raises(BadValue, match="is not one of"):
        read_order(values)
