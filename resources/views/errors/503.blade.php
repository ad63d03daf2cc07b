<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>The database cannot be reached · Vine Shelf</title><link rel="icon" href="/mark.svg">@vite(['resources/css/app.css'])</head>
<body class="quiet"><main class="sign-in"><h1>The database cannot be reached</h1><p>Nothing that was answered is lost. Try again in a moment.</p><p><a class="button" href="/projects">Back to the projects</a></p></main></body>
</html>
