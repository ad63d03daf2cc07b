@props (['title'])
<!doctype html>
<html lang="en">
<head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>{{ $title }} · Vine Shelf</title>
    <link rel="icon" href="/mark.svg" />
    @vite (['resources/css/app.css'])
</head>
<body class="quiet">
    <main class="sign-in">
        <h1>{{ $title }}</h1>
        <p>{{ $slot }}</p>
        <p><a class="button" href="/projects">Back to the projects</a></p>
    </main>
</body>
</html>
