<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** A model may have tens of thousands of meshes: as with objects, a foreign key would be checked row by row. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('meshes', fn (Blueprint $table) => $table->dropForeign(['project_id']));
        DB::unprepared(
            <<<'SQL'
                CREATE OR REPLACE FUNCTION delete_objects_of_project() RETURNS trigger LANGUAGE plpgsql AS $$
                BEGIN
                    DELETE FROM objects WHERE project_id = OLD.id;
                    DELETE FROM meshes WHERE project_id = OLD.id;
                    RETURN OLD;
                END $$;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
                CREATE OR REPLACE FUNCTION delete_objects_of_project() RETURNS trigger LANGUAGE plpgsql AS $$
                BEGIN
                    DELETE FROM objects WHERE project_id = OLD.id;
                    RETURN OLD;
                END $$;
            SQL
            ,
        );
        Schema::table('meshes', function (Blueprint $table): void {
            $table->foreign('project_id')->references('id')->on('projects')->cascadeOnDelete();
        });
    }
};
