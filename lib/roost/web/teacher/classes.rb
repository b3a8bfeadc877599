# frozen_string_literal: true

module Roost
  module Web
    # Classes and who is in them.
    class Classes < TeacherApp
      MOST_ASSIGNMENTS = 10
      helpers LessonPages, ExportPages

      get "/" do
        archived = params["shelf"] == "archived"
        deleted_lately = classes.deleted_lately(account_id)
        page("classes/index", title: "Classes", archived: archived, classes: classes.all(account_id, archived: archived),
                              rostered: number("rostered"), deleted_lately: deleted_lately,
                              deleted: deleted_lately.find { |row| row.id == number("deleted") })
      end

      post "/" do
        redirect "/classes/#{granted(Operations::KeepClass.new.create(account_id, params))}/add", 303
      end

      # Listed with a student.

      get("/roster") { page("classes/roster", title: "Import classes (OneRoster)") }

      # A package is looked at; nothing is saved.
      post "/roster" do
        file = uploads("package").first
        look = bring_roster.look_at(account_id, file[:tempfile])
        halt refuse("“#{File.basename(file[:filename].to_s)[0, 80]}” #{look.reason}") unless look.ok?
        page("classes/roster_classes", title: "Choose classes", look: look.value, email: Store::Accounts.new.email(account_id))
      end

      post "/roster/compare" do
        ids = chosen_groups
        page("classes/roster_changes", title: "What would change", ids: ids, ticket: params["ticket"].to_s,
                                       found: granted(bring_roster.compare(account_id, params["ticket"], ids)))
      end

      post "/roster/keep" do
        same = Array(params["same"]).grep(String) if params["asked"]
        found = granted(bring_roster.call(account_id, params["ticket"], chosen_groups, same: same))
        redirect "/classes?rostered=#{found.classes.length}", 303
      end

      get("/roster.zip") { send_roster("Classes", classes.all(account_id)) }

      get("/:id/roster.zip") { send_roster(our_class.name, [our_class]) }

      # What it should meet again.
      get "/:id/bring-back" do
        klass = our_class
        page("classes/bring_back", title: "Questions to revisit", klass: klass, lessons: Store::Lessons.new.titles(account_id),
                                   needs: Operations::BringBack.new.needs(account_id, klass.id))
      end

      post "/:id/bring-back" do
        klass = our_class
        made = Operations::BringBack.new.call(account_id, klass.id, way: params["way"].to_s, chosen: Array(params["questions"]),
                                                                    lesson_id: number("lesson"),
                                                                    title: "Opener for #{klass.name}")
        redirect "/lessons/#{granted(made)}", 303
      end

      get("/:id") { show_class }

      post "/:id" do
        granted(Operations::KeepClass.new.change(account_id, number("id"), params))
        redirect "/classes/#{number("id")}", 303
      end

      post "/:id/shares" do
        granted(Operations::ShareClass.new.call(account_id, number("id"), params["email"].to_s[0, 200]))
        redirect "/classes/#{number("id")}#about", 303
      end

      post "/:id/shares/:account/remove" do
        granted(Operations::ShareClass.new.stop(account_id, number("id"), number("account")))
        redirect "/classes/#{number("id")}#about", 303
      end

      post "/:id/archive" do
        archived = params["archived"] == "1"
        not_found unless Operations::KeepClass.new.archive(account_id, number("id"), archived: archived)
        redirect archived ? "/classes" : "/classes/#{number("id")}", 303
      end

      post "/:id/delete" do
        not_found unless Operations::KeepClass.new.delete(account_id, number("id"))
        redirect "/classes?deleted=#{number("id")}", 303
      end

      post "/:id/restore" do
        not_found unless Operations::KeepClass.new.delete(account_id, number("id"), deleted: false)
        redirect "/classes/#{number("id")}", 303
      end

      get("/:id/add") { page("classes/add", title: "Students of #{our_class.name}", row: our_class) }

      # A list is looked at, row by row; nothing is saved.
      post "/:id/list" do
        sheet = params["sheet"].is_a?(Hash)
        look = granted(sheet ? look_at_sheet : fill_class.look_at_text(account_id, our_class.id, text("names").to_s))
        page("classes/list", title: "Students of #{our_class.name}", row: our_class, look: look, sheet: sheet)
      end

      post "/:id/students" do
        apart = Array(params["apart"]).filter_map { |row| whole(row) }
        done = granted(fill_class.call(account_id, number("id"), params["ticket"], sheet: params["sheet"] == "1", apart: apart))
        redirect "/classes/#{number("id")}?came=#{done.changing.length}", 303
      end

      get "/:id/students.csv" do
        content_type "text/csv; charset=utf-8"
        attachment "#{file_name(our_class.name)}.csv"
        Exchange::ClassSheet.csv(students.of_class(our_class.id))
      end

      # Cards with everybody's pass, eight to a page.
      get "/:id/passes" do
        htmx? ? passes_part : page("classes/passes", title: "Passes", klass: our_class)
      end

      post "/:id/passes" do
        granted(Operations::MakeExport.new.start(account_id, "class_passes", our_class.id))
        redirect "/classes/#{our_class.id}/passes", 303
      end

      get "/:id/passes.file" do
        send_export("class_passes", our_class.id, path: "/classes/#{our_class.id}/passes",
                                                  name: "Passes #{file_name(our_class.name)}.pdf")
      end

      post "/:id/code" do
        Operations::ClassCode.new.renew(account_id, number("id")) || not_found
        redirect "/classes/#{number("id")}?code=new#code", 303
      end

      post "/:id/move" do
        ids = Array(params["students"]).filter_map { |id| whole(id) }
        granted(Operations::KeepStudent.new.move(account_id, number("id"), number("to"), ids, stay: params["stay"] == "1"))
        redirect "/classes/#{number("to")}", 303
      end

      helpers do
        def classes = Store::Classes.new

        def students = Store::Students.new

        def passes_part
          export_part("class_passes", our_class.id, path: "/classes/#{our_class.id}/passes", made: "PDF")
        end

        # The latest of them.
        # @return [Array<Array(Store::Sessions::Row, Float)>]
        def assignments = Store::PastSessions.new.assignments_of_class(account_id, our_class.id, MOST_ASSIGNMENTS)

        def our_class = @our_class ||= classes.find(account_id, number("id")) || not_found

        def show_class
          out = params["out"] && students.find(our_class.id, number("out"))
          page("classes/show", title: our_class.name, row: our_class, students: students.of_class(our_class.id),
                               others: classes.all(account_id).reject { |each| each.id == our_class.id }, out: out,
                               taken_out: students.taken_out(our_class.id), came: number("came"),
                               deleted: students.deleted_lately(our_class.id), just: number("deleted"),
                               colleagues: classes.colleagues(our_class.id),
                               code: Operations::ClassCode.new.call(account_id, our_class.id), renewed: params["code"] == "new")
        end

        def fill_class = Operations::FillClass.new

        def bring_roster = Operations::BringRoster.new

        # What becomes of a student's details, as the end of a sentence.
        def roster_fields(changes)
          said = changes.key?(:name) ? changes.except(:family) : changes
          shown = said.map { |field, value| field == :sourced_id ? "now linked to the school's list" : "#{field} “#{value}”" }
          shown.any? ? ": #{shown.join(", ")}" : ""
        end

        def chosen_groups = Array(params["classes"]).grep(String).first(Operations::BringRoster::MOST + 1)

        def send_roster(name, rows)
          content_type "application/zip"
          attachment "#{file_name(name)} OneRoster.zip"
          Exchange::OneRoster.zip(rows.map { |row| sent(row) },
                                  teacher: { id: account_id, name: teacher, email: Store::Accounts.new.email(account_id) },
                                  school: Store::School.new.settings.name)
        end

        def sent(row)
          all = students.of_class(row.id)
          Exchange::OneRoster::Sent.new(row: row, students: all, details: classes.records(row.id),
                                        people: students.records(all.map(&:id))).freeze
        end

        def look_at_sheet
          file = uploads("sheet").first
          name = File.basename(file[:filename].to_s)[0, 80]
          found = fill_class.look_at_sheet(account_id, our_class.id, file[:tempfile])
          found.ok? ? found : Core::Reading.refused("“#{name}” #{found.reason}")
        end
      end
    end
  end
end
