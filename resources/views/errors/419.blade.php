<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>The page was open too long · Vine Shelf</title><link rel="icon" href="/mark.svg">@vite(['resources/css/app.css'])</head>
<body class="quiet"><main class="sign-in"><h1>The page was open too long</h1><p>Load it again and repeat what you did; nothing was changed.</p><p><a class="button" href="/projects">Back to the projects</a></p></main></body>
</html>
