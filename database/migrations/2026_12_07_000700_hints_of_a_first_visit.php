<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Names of the hints that a person has not seen to the end yet, with spaces between. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('users', static fn (Blueprint $table) => $table->string('hints', 60)->default(''));
    }

    public function down(): void
    {
        Schema::table('users', static fn (Blueprint $table) => $table->dropColumn('hints'));
    }
};
