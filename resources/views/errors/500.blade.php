<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Something went wrong on our side · Vine Shelf</title><link rel="icon" href="/mark.svg">@vite(['resources/css/app.css'])</head>
<body class="quiet"><main class="sign-in"><h1>Something went wrong on our side</h1><p>It was logged. Nothing that was answered is lost.</p><p><a class="button" href="/projects">Back to the projects</a></p></main></body>
</html>
