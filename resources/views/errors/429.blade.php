<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Too many requests · Vine Shelf</title><link rel="icon" href="/mark.svg">@vite(['resources/css/app.css'])</head>
<body class="quiet"><main class="sign-in"><h1>Too many requests</h1><p>Wait a minute, then try again.</p><p><a class="button" href="/projects">Back to the projects</a></p></main></body>
</html>
