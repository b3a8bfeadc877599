# frozen_string_literal: true

module Roost
  module Web
    # Marking a colleague's question beside her, without names.
    class SecondMarking < TeacherApp
      helpers MarkingPages

      get "/for/:session/:slide" do
        second_page
      end

      post "/for/:session/:slide" do
        before = granted(Operations::MarkSecond.new.call(account_id, whole(params["session"]), params["slide"], marks))
        next second_page(undo: { marks: before, comments: {} }) unless params["undone"]

        redirect request.path_info.then { |path| "/results#{path}" }, 303
      end

      helpers do
        def nameless? = true

        def marking_path(row, slide, **) = "/results/for/#{row.id}/#{slide.id}"

        def second_page(undo: nil)
          row, slide = Operations::MarkSecond.new.asked(account_id, whole(params["session"]), params["slide"]) || not_found
          record = Store::Records.new.of(row, roll: [])
          page("results/second", title: "Mark #{slide.name}", undo: undo,
                                 **groups(row, slide, record, Store::SecondMarks.new.of(row.id, slide.id, account_id)))
        end
      end
    end
  end
end
