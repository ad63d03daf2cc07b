<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>You may not do that · Vine Shelf</title><link rel="icon" href="/mark.svg">@vite(['resources/css/app.css'])</head>
<body class="quiet"><main class="sign-in"><h1>You may not do that</h1><p>Ask the project's owner to let you change it.</p><p><a class="button" href="/projects">Back to the projects</a></p></main></body>
</html>
