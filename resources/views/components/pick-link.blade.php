@props (['key', 'name'])
{{-- What a list of weights names: a click picks it. --}}
<td>
    <button class="link" data-weight="pick" data-value="{{ $key }}" title="Pick {{ $name }}">{{ $name }}</button>
</td>
