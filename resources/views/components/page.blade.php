@props (['title', 'wide' => false, 'script' => 'app', 'window' => ''])
<!doctype html>
<html lang="en" data-theme="{{ auth()->user()->theme ?? 'auto' }}">
<head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <meta name="csrf-token" content="{{ csrf_token() }}" />
    <meta name="htmx-config" content='{"includeIndicatorCSS": false, "history": false, "defaultTimeout": 60000}' />
    <title>{{ $title }} · Vine Shelf</title>
    <link rel="icon" href="/mark.svg" type="image/svg+xml" />
    @vite (['resources/css/app.css', "resources/js/$script.js"])
</head>
<body
    hx-headers:inherited='{"X-CSRF-TOKEN": "{{ csrf_token() }}"@if ($window !== ''), "X-Window": "{{ $window }}"@endif}'
    @if ($window !== '') data-window="{{ $window }}" @endif
    {{ $attributes }}
>
    {{ $slot }}
</body>
</html>
